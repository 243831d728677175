import { addWords } from './addWords';
import { roomsEn } from './rooms.en';
import { roomsPt } from './rooms.pt';

addWords('rooms', { en: roomsEn, pt: roomsPt });
