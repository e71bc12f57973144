package sample;

import org.testng.annotations.Test;

/** What a test runs with TestNG itself. */
public class InnerSubject {
    @Test
    public void fails() {
        throw new AssertionError("as the outer one wants it");
    }
}
