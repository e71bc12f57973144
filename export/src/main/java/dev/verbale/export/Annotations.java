package dev.verbale.export;

import dev.verbale.ci.CiSystem;
import dev.verbale.results.Run;
import dev.verbale.results.source.CodeAtHand;
import java.nio.file.Path;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Failures at the lines that they came from, in the words that a CI system reads in a job's output and shows beside the code. What a test
 * recorded is in one line and no word of its own.
 *
 * @since 0.2.0
 */
public enum Annotations {
    /** {@code ::error file=...,line=...,title=...::...}, which GitHub Actions and its kin read. */
    WORKFLOW_COMMANDS {
        @Override
        String line(FailedLine failed) {
            String where =
                    failed.file().isEmpty() ? "" : "file=" + property(failed.file()) + ",line=" + failed.line() + ",";
            return "::error " + where + "title=" + property(failed.test()) + "::" + data(words(failed));
        }

        private String data(String text) {
            return text.replace("%", "%25").replace("\r", "%0D").replace("\n", "%0A");
        }

        private String property(String text) {
            return data(text).replace(":", "%3A").replace(",", "%2C");
        }
    },
    /** {@code ##vso[task.logissue ...]...}, which Azure Pipelines reads. */
    LOG_ISSUES {
        @Override
        String line(FailedLine failed) {
            String where = failed.file().isEmpty()
                    ? ""
                    : "sourcepath=" + property(failed.file()) + ";linenumber=" + failed.line() + ";";
            return "##vso[task.logissue type=error;" + where + "]" + data(failed.test() + ": " + words(failed));
        }

        private String data(String text) {
            return text.replace("%", "%AZP25").replace("\r", "%0D").replace("\n", "%0A");
        }

        private String property(String text) {
            return data(text).replace(";", "%3B").replace("]", "%5D");
        }
    },
    /** {@code ##teamcity[...]}, which TeamCity reads. */
    SERVICE_MESSAGES {
        @Override
        String line(FailedLine failed) {
            String at = failed.file().isEmpty() ? "" : failed.file() + ":" + failed.line() + ": ";
            return "##teamcity[buildProblem description='" + value(at + failed.test() + ": " + words(failed))
                    + "' identity='" + failed.reason() + "-"
                    + Integer.toHexString(failed.key().hashCode()) + "']";
        }

        private String value(String text) {
            var value = new StringBuilder();
            for (int i = 0; i < Math.min(LONGEST_PROBLEM, text.length()); i++) {
                char c = text.charAt(i);
                switch (c) {
                    case '\'', '|', '[', ']' -> value.append('|').append(c);
                    case '\n' -> value.append("|n");
                    case '\r' -> value.append("|r");
                    default -> value.append(c < ' ' || c > '~' ? String.format("|0x%04X", (int) c) : c);
                }
            }
            return value.toString();
        }
    },
    /** {@code FILE:LINE: TEST: ...}, as compilers have it and terminals and editors know it. */
    LINES {
        @Override
        String line(FailedLine failed) {
            String where = failed.file().isEmpty() ? "" : failed.file() + ":" + failed.line() + ": ";
            return (where + failed.test() + ": " + words(failed)).replaceAll("[\\p{Cntrl}]", " ");
        }
    };

    private static final int LONGEST_PROBLEM = 1_000;

    /** What the system of a job reads; {@link #LINES} where nobody knows. */
    public static Annotations of(Map<String, String> environment) {
        String sign = CiSystem.of(environment).map(CiSystem::sign).orElse("");
        return switch (sign) {
            case "GITHUB_ACTIONS" -> WORKFLOW_COMMANDS;
            case "TF_BUILD" -> LOG_ISSUES;
            case "TEAMCITY_VERSION" -> SERVICE_MESSAGES;
            default -> LINES;
        };
    }

    abstract String line(FailedLine failed);

    static String words(FailedLine failed) {
        return failed.title().equals(failed.text()) || failed.text().isEmpty()
                ? failed.title()
                : failed.title() + "\n" + failed.text();
    }

    /**
     * The failures of {@code run}, a line each.
     *
     * @param code null where no sources are at hand: then they stand at no line
     * @param root what the paths of files begin at, such as the folder that was checked out
     */
    public String text(Run run, @Nullable CodeAtHand code, Path root) {
        var text = new StringBuilder();
        for (FailedLine failed : FailedLine.of(run, code, root))
            text.append(line(failed)).append('\n');
        return text.toString();
    }
}
