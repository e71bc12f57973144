package dev.verbale.hub;

import dev.verbale.folder.RunFolder;
import dev.verbale.history.compare.BaselineFinder;
import dev.verbale.report.PageOptions;
import dev.verbale.results.progress.RunProgress.Expectation;
import dev.verbale.rules.GateRules;
import dev.verbale.rules.Rules;
import dev.verbale.viewer.ViewerOptions;
import java.io.IOException;
import java.nio.file.Path;

/** What the pages of a project's runs are made of beside their runs: what its people know, and its earlier runs. */
final class ProjectPages implements ViewerOptions.Pages {

    /** From a run's page to where the hub has the project's reasons and tests. */
    private static final String UP = "../../";

    private final String project;
    private final Path runs;
    private final ViewerOptions.Pages base;
    private final Knowledge knowledge;
    private final Histories histories;

    ProjectPages(String project, Path runs, ViewerOptions.Pages base, Knowledge knowledge, Histories histories) {
        this.project = project;
        this.runs = runs;
        this.base = base;
        this.knowledge = knowledge;
        this.histories = histories;
    }

    @Override
    public PageOptions options(RunFolder run) throws IOException {
        PageOptions options = base.options(run);
        Rules rules = new Rules(options.rules(), GateRules.STRICT).under(knowledge.of(project));
        return options.withRules(rules.triage())
                .withEarlier(new BaselineFinder(runs, histories.of(project), histories.read(project)))
                .withProjectPages(UP);
    }

    @Override
    public Expectation expected(RunFolder run) throws IOException {
        return histories.read(project).expected();
    }

    /** Both numbers only grow. */
    @Override
    public long version(RunFolder run) {
        return knowledge.version(project) + histories.version(project);
    }
}
