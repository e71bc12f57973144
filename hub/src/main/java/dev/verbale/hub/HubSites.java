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
    private final Path folder;
    private final Map<String, RunsSite> byProject = new ConcurrentHashMap<>();

    /** @param folder for pages that are made */
    HubSites(Mirror mirror, ViewerOptions.Pages pages, Path folder) {
        this.mirror = mirror;
        this.pages = pages;
        this.folder = folder;
    }

    /** Of a project that there is. */
    RunsSite of(String project) {
        return byProject.computeIfAbsent(
                project, name -> new RunsSite(name, mirror.runs(name), pages, folder.resolve(name)));
    }

    @Override
    public void close() {
        byProject.values().forEach(RunsSite::close);
    }
}
