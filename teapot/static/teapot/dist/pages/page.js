import{p as r}from"./shared-XEQVKKY6.js";r();
