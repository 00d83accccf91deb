import{q as r}from"./shared-CQK66HCU.js";r();
