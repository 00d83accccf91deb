import{q as r}from"./shared-LWI74FH6.js";r();
