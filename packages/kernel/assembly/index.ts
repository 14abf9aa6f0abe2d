export { analyse, begin, orderAt, panelSize, placesAt, rowCount, rowsAt, supernodeCount, tableAt, targetAt } from "./symbolic";
export { factor, factorHermitian, solve, solveHermitian } from "./cholesky";
