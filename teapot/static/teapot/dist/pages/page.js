import{p as r}from"./shared-RWAQFRC7.js";r();
