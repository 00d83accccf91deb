import{p as r}from"./shared-C7FMN6D5.js";r();
