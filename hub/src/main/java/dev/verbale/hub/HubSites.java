package dev.verbale.hub;

import dev.verbale.viewer.RunsSite;
import dev.verbale.viewer.ViewerOptions;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** What people see of each project: its list of runs, and their pages. */
final class HubSites implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(HubSites.class);

    private static final int AHEAD_SECONDS = 5;

    private final Mirror mirror;
    private final ViewerOptions.Pages pages;
    private final Knowledge knowledge;
    private final Histories histories;
    private final HubStreams streams;
    private final Path folder;
    private final Map<String, RunsSite> byProject = new ConcurrentHashMap<>();

    /** Pages of runs that are over are there before somebody comes: one of a hundred thousand tests takes seconds. */
    private final ScheduledExecutorService ahead = Executors.newSingleThreadScheduledExecutor(task -> {
        Thread thread = new Thread(task, "hub-pages");
        thread.setDaemon(true);
        thread.setPriority(Thread.MIN_PRIORITY);
        return thread;
    });

    /** Of projects whose newest page is made soon. */
    private final Set<String> due = ConcurrentHashMap.newKeySet();

    /** @param folder for pages that are made */
    HubSites(
            Mirror mirror,
            ViewerOptions.Pages pages,
            Knowledge knowledge,
            Histories histories,
            HubStreams streams,
            Path folder) {
        this.streams = streams;
        histories.onChange(this::makeAhead);
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
        site.onChange(() -> {
            streams.changed(project);
            makeAhead(project);
        });
        return site;
    }

    /** What changes within seconds is one change: a run is over, and then remembered. */
    void makeAhead(String project) {
        if (ahead.isShutdown() || !due.add(project)) return;
        ahead.schedule(
                () -> {
                    due.remove(project);
                    RunsSite site = byProject.get(project);
                    try {
                        if (site != null) site.makeAhead();
                    } catch (IOException | RuntimeException broken) {
                        LOG.warn("A page could not be made ahead of who asks for it.", broken);
                    }
                },
                AHEAD_SECONDS,
                TimeUnit.SECONDS);
    }

    @Override
    public void close() {
        ahead.shutdown();
        byProject.values().forEach(RunsSite::close);
    }
}
