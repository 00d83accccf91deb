import{o as r}from"./shared-6D75UPYJ.js";r();
