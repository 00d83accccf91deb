import{p as r}from"./shared-7QO52SZR.js";r();
