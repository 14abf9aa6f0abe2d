export { analyse, begin, orderAt, panelSize, placesAt, rowCount, rowsAt, supernodeCount, tableAt, targetAt } from "./symbolic";
export { factor, solve } from "./cholesky";
