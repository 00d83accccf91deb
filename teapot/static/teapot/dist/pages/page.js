import{q as r}from"./shared-KU44K6KY.js";r();
