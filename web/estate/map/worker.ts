import { reckon, type Question } from './reckon';

self.addEventListener('message', ({ data }: MessageEvent<Question>) => {
  self.postMessage(reckon(data));
});
