/** The words beside a service that is being written: what its employees will see. */
export const servicePicture = {
  as: 'As',
  sees: 'will see it',
  notForThem: 'It is not for them: they do not find it, and at its address they read that it is for others.',
  try: 'This is a picture: nothing is sent.',
  anyone: 'anyone',
  choose: 'Try it as …',
};
export type ServicePictureWords = typeof servicePicture;
