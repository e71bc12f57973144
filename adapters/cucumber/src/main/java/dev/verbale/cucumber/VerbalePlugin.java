package dev.verbale.cucumber;

import dev.verbale.MediaType;
import dev.verbale.Scope;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.SharedContainer;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.StepArgument;
import dev.verbale.vocabulary.StepKind;
import io.cucumber.plugin.ConcurrentEventListener;
import io.cucumber.plugin.event.DataTableArgument;
import io.cucumber.plugin.event.DocStringArgument;
import io.cucumber.plugin.event.EmbedEvent;
import io.cucumber.plugin.event.Event;
import io.cucumber.plugin.event.EventHandler;
import io.cucumber.plugin.event.EventPublisher;
import io.cucumber.plugin.event.HookTestStep;
import io.cucumber.plugin.event.HookType;
import io.cucumber.plugin.event.Location;
import io.cucumber.plugin.event.Node;
import io.cucumber.plugin.event.PickleStepTestStep;
import io.cucumber.plugin.event.Result;
import io.cucumber.plugin.event.SnippetsSuggestedEvent;
import io.cucumber.plugin.event.Status;
import io.cucumber.plugin.event.Step;
import io.cucumber.plugin.event.TestCase;
import io.cucumber.plugin.event.TestCaseFinished;
import io.cucumber.plugin.event.TestCaseStarted;
import io.cucumber.plugin.event.TestRunFinished;
import io.cucumber.plugin.event.TestRunStarted;
import io.cucumber.plugin.event.TestSourceParsed;
import io.cucumber.plugin.event.TestSourceRead;
import io.cucumber.plugin.event.TestStepFinished;
import io.cucumber.plugin.event.TestStepStarted;
import io.cucumber.plugin.event.WriteEvent;
import java.lang.ref.WeakReference;
import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * Hears what Cucumber runs, by whatever runner. On the JUnit Platform and in TestNG it registers itself; for the runner of JUnit 4
 * and the command line it is named, as {@code dev.verbale.cucumber.VerbalePlugin}, in {@code cucumber.properties}, in
 * {@code @CucumberOptions} or behind {@code --plugin}. Registered in several ways it still records once.
 *
 * @since 0.2.0
 */
public final class VerbalePlugin implements ConcurrentEventListener {

    /** The last run that one of this class began to record: a second one hears of the very same. */
    private static WeakReference<@Nullable TestRunStarted> lastStarted = new WeakReference<>(null);

    private final Map<URI, String> sources = new ConcurrentHashMap<>();
    private final Map<URI, FeatureFile> features = new ConcurrentHashMap<>();
    private final Map<String, SharedContainer> containers = new ConcurrentHashMap<>();
    private final Map<UUID, OpenScenario> open = new ConcurrentHashMap<>();
    private final OpenScenario.Suggestions suggestions = new OpenScenario.Suggestions();

    private volatile AdapterRecorder recorder = AdapterRecorder.none();

    /** As Cucumber makes it. */
    public VerbalePlugin() {}

    @Override
    public void setEventPublisher(EventPublisher publisher) {
        try {
            hear(publisher);
        } catch (RuntimeException | Error broken) {
            // one that takes no handlers has nothing to tell
        }
    }

    private void hear(EventPublisher publisher) {
        on(publisher, TestRunStarted.class, this::runStarts);
        on(publisher, TestSourceRead.class, read -> sources.put(read.getUri(), read.getSource()));
        on(publisher, TestSourceParsed.class, this::parsed);
        on(publisher, SnippetsSuggestedEvent.class, this::suggested);
        on(publisher, TestCaseStarted.class, this::scenarioStarts);
        on(publisher, TestStepStarted.class, of(TestStepStarted::getTestCase, this::stepStarts));
        on(publisher, TestStepFinished.class, of(TestStepFinished::getTestCase, this::stepEnds));
        on(publisher, EmbedEvent.class, this::embedded);
        on(publisher, WriteEvent.class, written -> recorder.log(written.getText()));
        on(publisher, TestCaseFinished.class, of(TestCaseFinished::getTestCase, this::scenarioEnds));
        on(publisher, TestRunFinished.class, this::runEnds);
    }

    /** Nothing that this does may get into the suite. */
    private <E extends Event> void on(EventPublisher publisher, Class<E> kind, Consumer<E> handler) {
        EventHandler<E> safely = event -> {
            if (event instanceof TestRunStarted) handler.accept(event);
            else recorder.safely("hearing " + kind.getSimpleName() + " of Cucumber", () -> handler.accept(event));
        };
        publisher.registerHandlerFor(kind, safely);
    }

    private <E extends Event> Consumer<E> of(
            java.util.function.Function<E, TestCase> testCase, BiConsumer<E, OpenScenario> handler) {
        return event -> {
            OpenScenario scenario = open.get(testCase.apply(event).getId());
            if (scenario != null) handler.accept(event, scenario);
        };
    }

    // The run.

    private void runStarts(TestRunStarted started) {
        if (!isFirstToHear(started)) return;
        AdapterRecorder current = AdapterRecorder.current();
        if (current.isInTest()) return; // a test runs Cucumber itself, to see what it does
        current.claim("cucumber");
        recorder = current;
    }

    private static synchronized boolean isFirstToHear(TestRunStarted started) {
        if (lastStarted.get() == started) return false;
        lastStarted = new WeakReference<>(started);
        return true;
    }

    private void runEnds(TestRunFinished finished) {
        List<SharedContainer> inner = new ArrayList<>(containers.values());
        inner.forEach(SharedContainer::end);
        containers.clear();
        recorder.sessionEnded();
    }

    private void parsed(TestSourceParsed parsed) {
        String text = sources.remove(parsed.getUri());
        String source = text == null ? "" : text;
        for (Node node : parsed.getNodes())
            features.put(parsed.getUri(), new FeatureFile(parsed.getUri(), node, source));
    }

    private void suggested(SnippetsSuggestedEvent event) {
        suggestions.add(
                position(event.getUri(), event.getStepLocation()),
                event.getSuggestion().getSnippets());
    }

    private static String position(URI uri, Location location) {
        return uri + ":" + location.getLine();
    }

    // Scenarios.

    private void scenarioStarts(TestCaseStarted started) {
        TestCase testCase = started.getTestCase();
        FeatureFile feature = features.get(testCase.getUri());
        if (feature == null) return; // Cucumber parsed none of that name
        int line = testCase.getLocation().getLine();
        FeatureFile.Scenario scenario = feature.at(line, testCase.getName());
        List<SharedContainer> around = containers(feature, scenario);
        Scope test = recorder.startTest(
                around.get(around.size() - 1).scope(),
                TestDescriptor.of(scenario.key(), name(testCase, scenario))
                        .tags(testCase.getTags().stream()
                                .map(tag -> tag.replaceFirst("^@", ""))
                                .toList())
                        .source(feature.path() + ":" + line)
                        .build());
        open.put(testCase.getId(), new OpenScenario(test, around));
        for (int i = 0; i < scenario.cells().size() && i < scenario.head().size(); i++)
            recorder.data(scenario.head().get(i), scenario.cells().get(i));
    }

    private List<SharedContainer> containers(FeatureFile feature, FeatureFile.Scenario scenario) {
        List<SharedContainer> around = new ArrayList<>();
        around.add(container(recorder.run(), feature.path(), feature.name(), feature.path()));
        String key = feature.path();
        for (String rule : scenario.rules()) {
            key += "/" + rule;
            around.add(container(around.get(around.size() - 1).scope(), key, rule, feature.path()));
        }
        return around;
    }

    private SharedContainer container(Scope in, String key, String name, String source) {
        return containers.computeIfAbsent(
                key,
                k -> SharedContainer.start(
                        recorder,
                        in,
                        TestDescriptor.of(key, name).source(source).build()));
    }

    /** A row whose name is that of all rows has its cells behind it. */
    private String name(TestCase testCase, FeatureFile.Scenario scenario) {
        String name = testCase.getName().isBlank() ? testCase.getKeyword() : testCase.getName();
        if (scenario.number() == 0 || !testCase.getName().equals(scenario.outline())) return name;
        List<String> shown = new ArrayList<>();
        for (int i = 0; i < scenario.cells().size(); i++) {
            boolean secret = i < scenario.head().size()
                    && recorder.isSecretName(scenario.head().get(i));
            shown.add(
                    secret
                            ? dev.verbale.Recorder.MASK
                            : recorder.shortened(scenario.cells().get(i), 60));
        }
        return name + " [" + scenario.number() + "] " + String.join(", ", shown);
    }

    private void scenarioEnds(TestCaseFinished finished, OpenScenario scenario) {
        open.remove(finished.getTestCase().getId());
        recorder.endTest(scenario.scope, end(finished.getResult(), scenario));
        scenario.containers.forEach(SharedContainer::lastedUntilNow);
    }

    private static TestEnd end(Result result, OpenScenario scenario) {
        Throwable error = result.getError();
        if (result.getStatus() == Status.PASSED) return TestEnd.passed();
        if (result.getStatus() == Status.SKIPPED)
            return error == null ? TestEnd.skipped("Cucumber skipped it") : TestEnd.aborted(error);
        if (error != null) return TestEnd.threw(error);
        UndefinedStep undefined = scenario.undefined;
        return TestEnd.threw(
                undefined != null
                        ? undefined
                        : new IllegalStateException("Cucumber says that it is " + result.getStatus()));
    }

    // Steps.

    private void stepStarts(TestStepStarted started, OpenScenario scenario) {
        if (started.getTestStep() instanceof PickleStepTestStep pickle) {
            Step step = pickle.getStep();
            String name = step.getKeyword() + step.getText();
            StepArgument argument = argument(step);
            scenario.step =
                    argument == null ? recorder.startStep(name) : recorder.startStep(StepKind.ACTION, name, argument);
        } else if (started.getTestStep() instanceof HookTestStep hook) {
            HookType type = hook.getHookType();
            boolean before = type == HookType.BEFORE || type == HookType.BEFORE_STEP;
            String name = OpenScenario.hook(hook, before ? "a hook before" : "a hook after");
            scenario.step = recorder.startStep(before ? StepKind.SET_UP : StepKind.TEAR_DOWN, name);
        }
    }

    private static @Nullable StepArgument argument(Step step) {
        if (step.getArgument() instanceof DataTableArgument table) return StepArgument.table(table.cells());
        if (step.getArgument() instanceof DocStringArgument text) return StepArgument.text(text.getContent());
        return null;
    }

    private void stepEnds(TestStepFinished finished, OpenScenario scenario) {
        dev.verbale.Step step = scenario.step;
        scenario.step = dev.verbale.Step.NONE;
        Result result = finished.getResult();
        Throwable error = result.getError();
        if (result.getStatus() == Status.PASSED) step.passed();
        else if (error != null) step.failed(error);
        else if (result.getStatus() == Status.UNDEFINED
                && finished.getTestStep() instanceof PickleStepTestStep pickle) {
            Step written = pickle.getStep();
            List<String> snippets = suggestions.of(position(pickle.getUri(), written.getLocation()));
            var undefined = new UndefinedStep(written.getText(), snippets);
            if (scenario.undefined == null) scenario.undefined = undefined;
            step.failed(undefined);
        } else step.skipped("a step before it did not pass");
    }

    private void embedded(EmbedEvent event) {
        String name = event.getName() == null || event.getName().isBlank() ? "attachment" : event.getName();
        recorder.attach(name, event.getData(), MediaType.of(event.getMediaType()));
    }
}
