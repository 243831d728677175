/** The words of what is put in order; they come with the lists. */
export const movingEn = {
  keys: 'Space picks up, arrows move, Space drops.',
  taken: 'Taken from place {{place}} of {{places}}.',
  over: 'Over place {{place}} of {{places}}.',
  put: 'Put at place {{place}} of {{places}}.',
  left: 'Left at place {{place}} of {{places}}.',
};
