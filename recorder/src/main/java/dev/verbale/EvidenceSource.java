package dev.verbale;

/**
 * Gives evidence when a step or a test fails. Asked at once, in the thread that failed, before any teardown, and only
 * once for one failure however many steps it passes through.
 *
 * <p>What it throws is logged in the test, and the other sources are still asked. It should be quick: the failing test
 * waits for it. It may be asked from several threads at once where several tests share it.
 *
 * <pre>{@code
 * Verbale.register(new EvidenceSource() {
 *     @Override
 *     public String name() {
 *         return "gate";
 *     }
 *
 *     @Override
 *     public void capture(Evidence evidence) throws Exception {
 *         evidence.log("the gate is " + gate.state());
 *         evidence.attach("gate", AttachmentKind.SCREENSHOT, camera.image(), MediaType.JPEG);
 *     }
 * });
 * }</pre>
 *
 * @since 0.2.0
 */
public interface EvidenceSource {

    /** What a reader knows it by, such as {@code browser}. */
    String name();

    /**
     * Captures the evidence.
     *
     * @throws Exception where there is none to be had; its message is shown
     */
    void capture(Evidence evidence) throws Exception;

    /**
     * A test or container that it was registered with ends now: for that one it will not be asked any more, and may let go of
     * what it held ready. Called in the thread that ends it, and what is recorded here still belongs to it.
     */
    default void ended(Scope scope) {}
}
