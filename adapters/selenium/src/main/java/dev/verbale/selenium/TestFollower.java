package dev.verbale.selenium;

/** Is told of the test that used a browser, in the thread of that test. */
interface TestFollower {

    void fails(Throwable failure);

    /** It is about to end. */
    void testEnds();
}
