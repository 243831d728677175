/** The words of a service's versions. */
export const serviceVersions = {
  title: 'The versions',
  now: 'Version {{version}}, the one that is asked for now',
  former: 'Version {{version}}',
  kept_one: '{{count}} open request keeps it',
  kept_other: '{{count}} open requests keep it',
  changed: 'Changed: {{parts}}',
  take: 'Write it like version {{version}} again',
};
export type ServiceVersionsWords = typeof serviceVersions;
