import{n as r}from"./shared-SPSRVWPU.js";r();
