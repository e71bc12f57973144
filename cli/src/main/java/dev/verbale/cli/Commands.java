package dev.verbale.cli;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The commands, in groups by what somebody wants, each in one line. A start that needs one of them loads no other. */
enum Commands {
    TODAY("Look", "today", TodayCommand.class, "what is new, whose it is, whether the gate is open"),
    FAILURES("Look", "failures", FailuresCommand.class, "what failed, by reason; one of them as a brief"),
    PAGE("Look", "page", PageCommand.class, "the page of a run, which opens by double click"),
    VIEW("Look", "view", ViewCommand.class, "a folder of runs in a browser, live"),
    RUNS("Look", "runs", RunsCommand.class, "lists runs; follow, query and sweep them"),
    COMPARE("Compare", "compare", CompareCommand.class, "what is different from an earlier run"),
    HISTORY("Compare", "history", HistoryCommand.class, "what many runs show: flaky, slower, since when"),
    GATE("Again", "gate", GateCommand.class, "a run by the rules of a file, for a build to fail by"),
    RERUN("Again", "rerun", RerunCommand.class, "the command that runs what failed again"),
    CI("Hand on", "ci", CiCommand.class, "the end of a job: join, page, gate, pack, publish, ..."),
    EXPORT("Hand on", "export", ExportCommand.class, "XML, Markdown, CSV, HAR, traces, lines of a CI job"),
    PACK("Hand on", "pack", PackCommand.class, "a run as one file, whole or without some of it"),
    PUBLISH("Hand on", "publish", PublishCommand.class, "its page, in a static site with an index"),
    MAIL("Hand on", "mail", MailCommand.class, "what a run came to, by SMTP"),
    NOTIFY("Hand on", "notify", NotifyCommand.class, "the same as JSON, to a chat or a tracker"),
    HUB("Hand on", "hub", HubCommand.class, "the server of a team; send it a run, also live"),
    SEAL("Hand on", "seal", SealCommand.class, "what the files of a run are, signed"),
    VERIFY("Hand on", "verify", VerifyCommand.class, "what was changed in a run since it was sealed"),
    JOIN("Keep", "join", JoinCommand.class, "several runs as one: shards, machines, attempts"),
    IMPORT("Keep", "import", ImportCommand.class, "files that other tools wrote, as a run");

    private final String group;
    private final String word;
    private final Class<?> type;
    private final String line;

    Commands(String group, String word, Class<?> type, String line) {
        this.group = group;
        this.word = word;
        this.type = type;
        this.line = line;
    }

    String word() {
        return word;
    }

    Class<?> type() {
        return type;
    }

    static Optional<Commands> of(String word) {
        for (Commands one : values()) if (one.word.equals(word)) return Optional.of(one);
        return Optional.empty();
    }

    /** A line for each, the first of a group with its name. */
    static List<String> lines() {
        List<String> lines = new ArrayList<>();
        String before = "";
        for (Commands one : values()) {
            lines.add(String.format("%-9s%-10s%s", one.group.equals(before) ? "" : one.group, one.word, one.line));
            before = one.group;
        }
        return lines;
    }
}
