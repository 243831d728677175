export const movingPt = {
  keys: 'Espaço pega, as setas movem, Espaço larga.',
  taken: 'Tirado do lugar {{place}} de {{places}}.',
  over: 'Sobre o lugar {{place}} de {{places}}.',
  put: 'Posto no lugar {{place}} de {{places}}.',
  left: 'Deixado no lugar {{place}} de {{places}}.',
};
