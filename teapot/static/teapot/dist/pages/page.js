import{q as r}from"./shared-UF6WQE3S.js";r();
