import{q as r}from"./shared-JNNXDMNA.js";r();
