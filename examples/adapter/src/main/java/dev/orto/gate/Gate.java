package dev.orto.gate;

import java.io.IOException;

/** The client to be watched: the garden's gate, which is asked a line and replies with one. */
public interface Gate {

    /** Such as {@code OPEN 4711}; the reply is {@code OPENED} or {@code REFUSED}. */
    String ask(String command) throws IOException;
}
