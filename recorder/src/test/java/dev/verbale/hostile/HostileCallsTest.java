package dev.verbale.hostile;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.BoundedBuffer;
import dev.verbale.CarriedTask;
import dev.verbale.ContentSource;
import dev.verbale.EvidenceSource;
import dev.verbale.Exchange;
import dev.verbale.PendingAttachment;
import dev.verbale.Recorder;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.Step;
import dev.verbale.ThrowingRunnable;
import dev.verbale.ThrowingSupplier;
import dev.verbale.ValuesDiffer;
import dev.verbale.Verbale;
import dev.verbale.jul.VerbaleHandler;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.spi.Adapter;
import dev.verbale.spi.AdapterExchange;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.AdapterStep;
import dev.verbale.spi.Capture;
import dev.verbale.spi.Context;
import dev.verbale.spi.Setting;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.spi.TestLifecycle;
import dev.verbale.spi.ThrowableReader;
import dev.verbale.vocabulary.StepKind;
import java.lang.reflect.Constructor;
import java.lang.reflect.Method;
import java.lang.reflect.Modifier;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.Executor;
import java.util.concurrent.ExecutorService;
import java.util.function.Supplier;
import java.util.logging.Level;
import java.util.logging.LogRecord;
import java.util.stream.Stream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Promise 2: no call throws into a test. Every public method of every exported type, with nulls and with the worst. */
@Tag("newer-jdk")
class HostileCallsTest {

    private static final List<String> EXPORTED = List.of("dev.verbale", "dev.verbale.jul", "dev.verbale.spi");

    /** What a suite implements and we call: there is nothing of ours in it to be called. */
    private static final Set<Class<?>> CALLED_BY_US = Set.of(
            ThrowingRunnable.class,
            ThrowingSupplier.class,
            CarriedTask.class,
            Adapter.class,
            EvidenceSource.class,
            ThrowableReader.class,
            ContentSource.class);

    @TempDir
    Path root;

    @Test
    void no_call_throws_whatever_it_is_given() throws Exception {
        AdapterRecorder recorder =
                AdapterRecorder.open(RecorderOptions.defaults().withRoot(root).withSummaryLine(false));
        Scope test = recorder.startTest(
                recorder.run(), TestDescriptor.of("k", "odd calls").build());
        AdapterStep step = recorder.startStep(StepKind.ACTION, "open");
        AdapterExchange exchange = recorder.exchange("GET", "http://localhost");
        PendingAttachment pending = recorder.attachLater("later", "attachment");
        AdapterStep ended = recorder.startOverlappingStep(StepKind.ACTION, "ended");
        ended.passed();
        AdapterExchange over = recorder.exchange("GET", "http://localhost");
        over.ended();
        List<Object> recorders = List.of(recorder, AdapterRecorder.none());
        Map<Class<?>, List<Object>> instances = Map.ofEntries(
                Map.entry(Recorder.class, recorders),
                Map.entry(AdapterRecorder.class, recorders),
                Map.entry(TestLifecycle.class, recorders),
                Map.entry(Capture.class, recorders),
                Map.entry(Context.class, recorders),
                Map.entry(Setting.class, List.of(Setting.onOff("verbale.gate", true, "whether it is open"))),
                Map.entry(Step.class, List.of(step, ended, Step.NONE)),
                Map.entry(AdapterStep.class, List.of(step, ended, AdapterStep.NONE)),
                Map.entry(Exchange.class, List.of(exchange, over, Exchange.NONE)),
                Map.entry(AdapterExchange.class, List.of(exchange, over, AdapterExchange.NONE)),
                Map.entry(
                        PendingAttachment.class,
                        List.of(pending, AdapterRecorder.none().attachLater("none", "attachment"))),
                Map.entry(Scope.class, List.of(test, recorder.run())),
                Map.entry(BoundedBuffer.class, List.of(new BoundedBuffer(-5), new BoundedBuffer(10))),
                Map.entry(VerbaleHandler.class, List.of(new VerbaleHandler())),
                Map.entry(ValuesDiffer.class, List.of(different())),
                Map.entry(RecorderOptions.class, List.of(RecorderOptions.defaults())));

        var calls = new HostileCalls(HostileCallsTest::worst);
        for (Class<?> type : exportedTypes()) {
            if (CALLED_BY_US.contains(type)) continue;
            for (Constructor<?> constructor : type.getConstructors()) {
                if (Modifier.isAbstract(type.getModifiers())) continue;
                calls.of(constructor);
            }
            for (Method method : type.getDeclaredMethods()) {
                if (!Modifier.isPublic(method.getModifiers()) || method.isSynthetic()) continue;
                if (method.getName().equals("check") && method.getParameterCount() == 3)
                    continue; // throws where values differ
                for (Object instance : instances(type, method, instances)) calls.of(method, instance);
            }
        }
        recorder.endTest(test, TestEnd.threw(new Hostile.Thrown()));

        assertThat(calls.threw()).isEmpty();
        assertThat(calls.count()).isGreaterThan(250);
        Run run = RunReader.read(root);
        assertThat(run.tests()).isNotEmpty();
        assertThat(run.problems()).noneMatch(problem -> problem.what().contains("not JSON"));
    }

    private static Throwable different() {
        try {
            Verbale.check("odd", 1, new Hostile.Text());
        } catch (ValuesDiffer differ) {
            return differ;
        }
        throw new AssertionError("they differ");
    }

    /** A hostile failure goes through a step as what it is, and its step and test are written down. */
    @Test
    void what_a_body_throws_is_what_comes_out_however_it_answers() {
        var failure = new Hostile.Thrown();
        Throwable out = null;
        try {
            Verbale.step("odd", () -> {
                throw failure;
            });
        } catch (Throwable thrown) {
            out = thrown;
        }

        assertThat(out == failure).isTrue();
    }

    /** One source is null and one hostile, and each later failure is still the test's own. */
    @Test
    void sources_that_are_null_or_hostile_change_no_failure() {
        Verbale.register(null);
        Verbale.register((EvidenceSource) Hostile.value(EvidenceSource.class));
        var failure = new IllegalStateException("the gate is locked");
        Throwable out = null;
        try {
            Verbale.step("open", () -> {
                throw failure;
            });
        } catch (Throwable thrown) {
            out = thrown;
        }

        assertThat(out).isSameAs(failure);
    }

    private static Object worst(Class<?> type) {
        if (type == ThrowingRunnable.class) return (ThrowingRunnable<RuntimeException>) () -> {};
        if (type == ThrowingSupplier.class) return (ThrowingSupplier<Object, RuntimeException>) () -> null;
        if (Set.of(Runnable.class, Callable.class, Supplier.class, Executor.class, ExecutorService.class)
                .contains(type)) return Hostile.value(type);
        if (type == TestDescriptor.class)
            return TestDescriptor.of(null, null).tags(null).build();
        if (type == TestEnd.class) return TestEnd.threw(new Hostile.Thrown());
        if (type == RecorderOptions.class) return RecorderOptions.defaults().withEnabled(false);
        if (type == BoundedBuffer.class) return new BoundedBuffer(3);
        if (type == LogRecord.class) {
            var line = new LogRecord(Level.INFO, "odd {0}");
            line.setParameters(new Object[] {new Hostile.Text()});
            line.setThrown(new Hostile.Thrown());
            return line;
        }
        return Hostile.value(type);
    }

    private static List<Object> instances(Class<?> type, Method method, Map<Class<?>, List<Object>> known)
            throws ReflectiveOperationException {
        if (Modifier.isStatic(method.getModifiers())) {
            List<Object> none = new ArrayList<>();
            none.add(null);
            return none;
        }
        if (known.containsKey(type)) return known.get(type);
        if (type.isRecord() || Throwable.class.isAssignableFrom(type)) {
            Constructor<?> first = type.getConstructors()[0];
            return List.of(first.newInstance(Stream.of(first.getParameterTypes())
                    .map(HostileCalls::nothing)
                    .toArray()));
        }
        return List.of(); // nobody but a suite makes one
    }

    private static List<Class<?>> exportedTypes() throws Exception {
        Path classes = Path.of(Verbale.class
                .getProtectionDomain()
                .getCodeSource()
                .getLocation()
                .toURI());
        List<Class<?>> types = new ArrayList<>();
        for (String exported : EXPORTED) {
            try (Stream<Path> files = Files.list(classes.resolve(exported.replace('.', '/')))) {
                for (Path file : files.sorted().toList()) {
                    String name = file.getFileName().toString();
                    if (!name.endsWith(".class") || name.equals("package-info.class")) continue;
                    Class<?> type = Class.forName(exported + "." + name.replace(".class", ""));
                    if (Modifier.isPublic(type.getModifiers())) types.add(type);
                }
            }
        }
        return types;
    }
}
