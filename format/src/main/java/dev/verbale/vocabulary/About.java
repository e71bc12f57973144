package dev.verbale.vocabulary;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What a test is about. What is null or empty was not said. Immutable; two that say the same are equal.
 *
 * @since 0.2.0
 */
public final class About {

    /** Of a test of which nothing was said. */
    public static final About NOTHING = of().build();

    private final @Nullable String text;
    private final @Nullable String severity;
    private final @Nullable String owner;
    private final List<Link> links;

    private About(Builder parts) {
        text = parts.text;
        severity = parts.severity;
        owner = parts.owner;
        links = List.copyOf(parts.links);
    }

    /** To be said by name. */
    public static Builder of() {
        return new Builder();
    }

    /** For somebody who does not read the test's code. */
    public @Nullable String text() {
        return text;
    }

    /** How grave a failure of it is, in the suite's own words. */
    public @Nullable String severity() {
        return severity;
    }

    /** Who cares for it. */
    public @Nullable String owner() {
        return owner;
    }

    /** What belongs to it elsewhere, in the order in which it was said. */
    public List<Link> links() {
        return links;
    }

    /** This, and what {@code later} replaces; links are added up. */
    public About and(About later) {
        Builder both = of().text(later.text == null ? text : later.text)
                .severity(later.severity == null ? severity : later.severity)
                .owner(later.owner == null ? owner : later.owner);
        links.forEach(both::link);
        for (Link link : later.links) if (!links.contains(link)) both.link(link);
        return both.build();
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof About about
                && Objects.equals(text, about.text)
                && Objects.equals(severity, about.severity)
                && Objects.equals(owner, about.owner)
                && links.equals(about.links);
    }

    @Override
    public int hashCode() {
        return Objects.hash(text, severity, owner, links);
    }

    @Override
    public String toString() {
        return "About[text=" + text + ", severity=" + severity + ", owner=" + owner + ", links=" + links + "]";
    }

    /**
     * Something elsewhere.
     *
     * @param name such as {@code GARDEN-17}
     * @param address where it is, or null where nobody knows
     */
    public record Link(String name, @Nullable String address) {}

    /** What is said, by name. For one thread. */
    public static final class Builder {

        private @Nullable String text;
        private @Nullable String severity;
        private @Nullable String owner;
        private final List<Link> links = new ArrayList<>();

        private Builder() {}

        /** @see About#text */
        public Builder text(@Nullable String value) {
            text = value;
            return this;
        }

        /** @see About#severity */
        public Builder severity(@Nullable String value) {
            severity = value;
            return this;
        }

        /** @see About#owner */
        public Builder owner(@Nullable String value) {
            owner = value;
            return this;
        }

        /** A link by a name, which the settings turn into an address, or by a whole address. */
        public Builder link(@Nullable String name) {
            return link(name == null ? (Link) null : new Link(name, null));
        }

        /** A link of which the address is known. */
        public Builder link(@Nullable Link link) {
            if (link != null) links.add(link);
            return this;
        }

        /** All that was said. */
        public About build() {
            return new About(this);
        }
    }
}
