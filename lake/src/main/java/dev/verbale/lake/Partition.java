package dev.verbale.lake;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.regex.Pattern;

/** A day of a project, in UTC. */
record Partition(String project, LocalDate day) {

    static final String PROJECT = "project=";
    static final String DAY = "day=";
    private static final Pattern NAME = Pattern.compile("[A-Za-z0-9][A-Za-z0-9._-]{0,99}");

    static Partition of(String project, Instant moment) {
        return new Partition(project, moment.atOffset(ZoneOffset.UTC).toLocalDate());
    }

    /** @throws IllegalArgumentException where it would not do as the name of a folder on every storage */
    static String checked(String project) {
        if (!NAME.matcher(project).matches())
            throw new IllegalArgumentException(
                    "'" + project
                            + "' is no name of a project: it has letters, digits, '.', '_' and '-', at most 100, and begins with a letter or digit");
        return project;
    }

    /** As engines name the folders of a table. */
    String folder() {
        return PROJECT + project + "/" + DAY + day;
    }
}
