import{n as r}from"./shared-AWU2K2IL.js";r();
