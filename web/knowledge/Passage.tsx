import type { FoundArticle } from '../../contract/knowledge';
import classes from './Passage.module.css';

/** The passage of an article that answers, with the words marked that it was found by. */
export function Passage({ parts }: { parts: FoundArticle['passage'] }) {
  return (
    <span className={classes.passage} dir="auto">
      {parts.map(({ text, isMarked }, i) => (isMarked ? <mark key={i}>{text}</mark> : text))}
    </span>
  );
}
