/** In place of every style sheet: a class is called as it is in its file. */
const styles = new Proxy<Record<string, string>>({}, { get: (_, name) => String(name) });
export default styles;
