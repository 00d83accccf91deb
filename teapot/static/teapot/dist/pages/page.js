import{p as r}from"./shared-OMAJBMGI.js";r();
