package dev.orto.garden;

/** A piece of ground. */
public record Plot(int number, String keeper, String crop, double squareMetres) {}
