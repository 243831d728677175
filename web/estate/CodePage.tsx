import { Navigate, useParams } from 'react-router';
import { useMe } from '../api/queries';

/** Where the code on a thing leads: whoever works at the Desk to its page, anyone else to what they have. */
export function CodePage() {
  const { id } = useParams();
  const me = useMe();
  return <Navigate replace to={me.areas.includes('estate') ? `/estate/${id}` : '/ask/things'} />;
}
