package dev.verbale.hub;

import dev.verbale.viewer.RunsSite;
import dev.verbale.viewer.ViewerOptions;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** What people see of each project: its list of runs, and their pages. */
final class HubSites implements AutoCloseable {

    private final Mirror mirror;
    private final ViewerOptions.Pages pages;
    private final Knowledge knowledge;
    private final Histories histories;
    private final HubStreams streams;
    private final Path folder;
    private final Map<String, RunsSite> byProject = new ConcurrentHashMap<>();

    /** @param folder for pages that are made */
    HubSites(
            Mirror mirror,
            ViewerOptions.Pages pages,
            Knowledge knowledge,
            Histories histories,
            HubStreams streams,
            Path folder) {
        this.streams = streams;
        this.mirror = mirror;
        this.pages = pages;
        this.knowledge = knowledge;
        this.histories = histories;
        this.folder = folder;
    }

    /** Of a project that there is. */
    RunsSite of(String project) {
        return byProject.computeIfAbsent(project, this::begun);
    }

    private RunsSite begun(String project) {
        var site = new RunsSite(
                project,
                mirror.runs(project),
                new ProjectPages(project, mirror.runs(project), pages, knowledge, histories),
                folder.resolve(project));
        site.onChange(() -> streams.changed(project));
        return site;
    }

    @Override
    public void close() {
        byProject.values().forEach(RunsSite::close);
    }
}
