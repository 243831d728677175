import type { ServicePictureWords } from './servicePicture.en';

/** As palavras ao lado de um serviço que se escreve. */
export const servicePicture: ServicePictureWords = {
  as: 'Como',
  sees: 'o verá',
  notForThem: 'Não é para essa pessoa: não o encontra, e no endereço lê que é para outros.',
  try: 'Isto é uma imagem: nada se envia.',
  anyone: 'qualquer pessoa',
  choose: 'Ver como …',
};
