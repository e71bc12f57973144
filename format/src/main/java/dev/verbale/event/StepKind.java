package dev.verbale.event;

/** What a step is for. */
public enum StepKind {
    /** Part of what the test does. */
    ACTION("action"),
    /** Prepares a test or a container, such as a {@code @BeforeEach} method. */
    SET_UP("set-up"),
    /** Cleans up after a test or a container. */
    TEAR_DOWN("tear-down"),
    /** Something that was done to a browser; the adapter writes it, and what is between asterisks is a name. */
    BROWSER("browser");

    private final String word;

    StepKind(String word) {
        this.word = word;
    }

    /** The word for it in journals. */
    public String word() {
        return word;
    }

    /**
     * The kind that journals call {@code word}.
     *
     * @throws IllegalArgumentException where no kind has that word
     */
    public static StepKind ofWord(String word) {
        for (StepKind kind : values()) if (kind.word.equals(word)) return kind;
        throw new IllegalArgumentException("unknown kind of step '" + word + "'");
    }
}
