export { toAddress } from './address';
export { checkPassword, SHORTEST_PASSWORD, type PasswordProblem } from './password';
