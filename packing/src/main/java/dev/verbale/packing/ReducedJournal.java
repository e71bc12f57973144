package dev.verbale.packing;

import dev.verbale.event.AttachmentStored;
import dev.verbale.event.AttachmentStored.StoredFile;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.DataNamed;
import dev.verbale.event.Event;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.FactStated;
import dev.verbale.event.JournalOpened;
import dev.verbale.event.LogWritten;
import dev.verbale.event.ProblemMet;
import dev.verbale.event.StepBudgeted;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.event.UnknownEvent;
import dev.verbale.folder.RunFolder;
import dev.verbale.journal.JournalReader;
import dev.verbale.journal.JournalWriter;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A journal of which a pack does not want everything: read once for what is in it, and written anew without the rest. Whatever could not be
 * read of it is a problem of what is written.
 */
final class ReducedJournal {

    private final RunFolder folder;
    private final Path journal;
    private final PackOptions options;
    private final BitSet calm = new BitSet(); // tests of which nothing is wanted, by their ids
    private final List<PackedFile> files = new ArrayList<>();
    private int[] test = new int[1 << 10]; // that a scope is in, by its id; 0 for none
    private long opened;
    private boolean hasOpening;

    private ReducedJournal(RunFolder folder, Path journal, PackOptions options) {
        this.folder = folder;
        this.journal = journal;
        this.options = options;
    }

    static ReducedJournal of(RunFolder folder, Path journal, PackOptions options) throws IOException {
        var reduced = new ReducedJournal(folder, journal, options);
        var ended = new Ends(reduced);
        JournalReader.read(journal, ended);
        JournalReader.read(journal, new Files(reduced));
        return reduced;
    }

    Path journal() {
        return journal;
    }

    /** What it names, and is wanted. */
    List<PackedFile> files() {
        return files;
    }

    /** Reads, and writes nothing. */
    private abstract static class Reading implements JournalReader.Listener {
        final ReducedJournal of;

        Reading(ReducedJournal of) {
            this.of = of;
        }

        @Override
        public void unread(int line, String why) {}

        @Override
        public void unknown(int line, String what) {}

        @Override
        public void odd(int line, String what) {}
    }

    /** How the tests ended, and which scope is in which. */
    private static final class Ends extends Reading {

        Ends(ReducedJournal of) {
            super(of);
        }

        @Override
        public void event(Event event, int line) {
            if (event instanceof JournalOpened first && line == 1) {
                of.hasOpening = true;
                of.opened = ChronoUnit.MICROS.between(Instant.EPOCH, first.wall());
            } else if (event instanceof TestStarted begun) {
                of.put(begun.id(), begun.id());
            } else if (event instanceof StepStarted step) {
                of.put(step.id(), of.testOf(step.in()));
            } else if (event instanceof TestEnded end) {
                of.calm.set(end.id(), !end.outcome().needsAttention());
            }
        }
    }

    /** Which files are named, and for whom. */
    private static final class Files extends Reading {

        Files(ReducedJournal of) {
            super(of);
        }

        @Override
        public void event(Event event, int line) {
            if (event instanceof AttachmentStored stored && of.isWanted(stored.in()))
                add(stored.file().path(), part(stored), stored.in(), stored.at());
            else if (event instanceof ExchangeMade made && of.isWanted(made.in())) {
                body(made.request().body(), made);
                if (made.response() != null) body(made.response().body(), made);
            }
        }

        private void body(ExchangeMade.@Nullable Body body, ExchangeMade made) {
            if (body == null) return;
            if (body.file() != null) add(body.file(), "bodies", made.in(), made.at());
            for (ExchangeMade.Part one : body.parts()) body(one.body(), made);
        }

        private void add(String path, String part, int in, long at) {
            Path file = of.folder.file(path).path();
            if (file == null || of.options.without().contains(part)) return;
            int id = of.testOf(in);
            of.files.add(new PackedFile(file, part, id == 0 || !of.calm.get(id), of.opened + at));
        }
    }

    private static String part(AttachmentStored stored) {
        return PackOptions.PARTS.contains(stored.kind()) ? stored.kind() : "attachment";
    }

    private void put(int id, int itsTest) {
        if (id < 0) return;
        if (id >= test.length) test = Arrays.copyOf(test, Math.max(id + 1, test.length * 2));
        test[id] = itsTest;
    }

    private int testOf(int scope) {
        return scope > 0 && scope < test.length ? test[scope] : 0;
    }

    private boolean isWanted(int scope) {
        int its = testOf(scope);
        return !options.failuresOnly() || its == 0 || !calm.get(its);
    }

    /**
     * Writes it anew.
     *
     * @param kept files that are packed; null for all that are wanted
     * @param reduction counts what is left out
     * @param says what the run says of that; empty as long as nobody knows
     * @return whether it was written; where it does not begin as journals do, it is packed as it is
     */
    boolean write(Path target, @Nullable Set<Path> kept, Reduction reduction, String says) throws IOException {
        if (!hasOpening) return false;
        var writing = new Writing(target, kept, reduction, says);
        try {
            JournalReader.read(journal, writing);
        } catch (UncheckedIOException failed) {
            throw failed.getCause();
        }
        return true;
    }

    private final class Writing implements JournalReader.Listener {

        private final Path target;
        private final @Nullable Set<Path> kept;
        private final Reduction reduction;
        private final String says;
        private @Nullable JournalWriter writer;
        private long last;

        Writing(Path target, @Nullable Set<Path> kept, Reduction reduction, String says) {
            this.target = target;
            this.kept = kept;
            this.reduction = reduction;
            this.says = says;
        }

        @Override
        public void event(Event event, int line) {
            try {
                last = event.at();
                if (writer == null) {
                    writer = JournalWriter.open(target, (JournalOpened) event, text -> text);
                    if (!says.isEmpty()) writer.append(new FactStated(event.at(), FactStated.LEFT_OUT, says));
                    return;
                }
                if (event instanceof UnknownEvent unknown) {
                    problem("line " + line + " was left out of this copy: a later version wrote it ('" + unknown.word()
                            + "')");
                    return;
                }
                Event left = reduced(event);
                if (left != null) writer.append(left);
            } catch (IOException failed) {
                throw new UncheckedIOException(failed);
            }
        }

        private @Nullable Event reduced(Event event) {
            if (event instanceof TestEnded end && options.failuresOnly() && calm.get(end.id())) reduction.calmTest();
            if (!isAboutWanted(event)) return null;
            if (event instanceof LogWritten && options.without().contains("logs")) {
                reduction.part("logs");
                return null;
            }
            if (event instanceof AttachmentStored stored) return reduced(stored);
            if (event instanceof ExchangeMade made) return reduced(made);
            return event;
        }

        private boolean isAboutWanted(Event event) {
            if (event instanceof TestStarted || event instanceof ContainerStarted) return true;
            if (event instanceof StepEnded end) return isWanted(end.id());
            if (event instanceof StepBudgeted budget) return isWanted(budget.id());
            if (event instanceof DataNamed data && testOf(data.in()) == data.in())
                return true; // by them its rows differ
            return !(event instanceof Event.InScope inside) || isWanted(inside.in());
        }

        private Event reduced(AttachmentStored stored) {
            String why = whyNot(stored.file().path(), part(stored));
            if (why == null || stored.file().leftOut() != null) return stored;
            StoredFile file = stored.file();
            return AttachmentStored.of(
                            stored.at(),
                            stored.in(),
                            stored.name(),
                            stored.kind(),
                            new StoredFile(file.path(), file.mediaType(), file.size(), file.sha256(), why))
                    .pending(stored.pending())
                    .begins(stored.begins())
                    .build();
        }

        /** Null where it is packed, or was not there. */
        private @Nullable String whyNot(String path, String part) {
            if (options.without().contains(part)) {
                reduction.part(part);
                return "packed without it";
            }
            Path file = folder.file(path).path();
            if (file == null || kept == null || kept.contains(file)) return null;
            reduction.withoutRoom();
            return "no room for it";
        }

        private Event reduced(ExchangeMade made) {
            ExchangeMade.Request request = made.request();
            ExchangeMade.Response response = made.response();
            return new ExchangeMade(
                    made.at(),
                    made.id(),
                    made.in(),
                    made.thread(),
                    made.client(),
                    made.protocol(),
                    new ExchangeMade.Request(
                            request.method(), request.url(), request.headers(), reduced(request.body())),
                    response == null
                            ? null
                            : new ExchangeMade.Response(
                                    response.status(), response.headers(), reduced(response.body())),
                    made.timing(),
                    made.failure(),
                    made.trace(),
                    made.attributes());
        }

        private ExchangeMade.@Nullable Body reduced(ExchangeMade.@Nullable Body body) {
            if (body == null || body.leftOut() != null) return body;
            boolean isUnwanted = options.without().contains("bodies");
            if (!isUnwanted && body.file() == null && body.parts().isEmpty()) return body;
            String why = null;
            if (isUnwanted) {
                reduction.part("bodies");
                why = "packed without it";
            } else if (body.file() != null) why = whyNot(body.file(), "bodies");
            if (why != null)
                return new ExchangeMade.Body(
                        body.mediaType(), body.size(), body.decoded(), null, false, null, List.of(), why);
            List<ExchangeMade.Part> parts = new ArrayList<>();
            for (ExchangeMade.Part one : body.parts()) {
                ExchangeMade.Body left = reduced(one.body());
                parts.add(new ExchangeMade.Part(
                        one.name(), one.fileName(), one.head(), left == null ? one.body() : left));
            }
            return new ExchangeMade.Body(
                    body.mediaType(), body.size(), body.decoded(), body.text(), body.isCut(), body.file(), parts, null);
        }

        @Override
        public void unread(int line, String why) {
            problem("line " + line + " could not be read when it was packed: " + why);
        }

        @Override
        public void unknown(int line, String what) {
            problem("line " + line + " lost what a later version wrote when it was packed: " + what);
        }

        @Override
        public void odd(int line, String what) {
            problem("line " + line + " was odd when it was packed: " + what);
        }

        private void problem(String text) {
            if (writer == null) return;
            try {
                writer.append(new ProblemMet(last, text));
            } catch (IOException failed) {
                throw new UncheckedIOException(failed);
            }
        }
    }
}
