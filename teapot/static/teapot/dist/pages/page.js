import{q as r}from"./shared-U7LTHAHF.js";r();
