package dev.verbale.engine;

import dev.verbale.border.SafeCopies;
import dev.verbale.border.Services;
import dev.verbale.border.ShownValue;
import dev.verbale.engine.run.OtherVersions;
import dev.verbale.spi.Adapter;
import dev.verbale.spi.Setting;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.ServiceLoader;
import java.util.Set;
import java.util.TreeSet;

/**
 * What the adapters bring that are there.
 *
 * @param settings of all of them
 * @param libraries how the names of classes begin that they say are not the suite's own
 * @param bodyThreads how the names of the threads begin that run the body of one test
 */
record InstalledAdapters(List<Setting> settings, List<String> libraries, List<String> bodyThreads) {

    static final InstalledAdapters NONE = new InstalledAdapters(List.of(), List.of(), List.of());

    /** One that cannot be loaded, or does not answer, is a problem; the others count. */
    static InstalledAdapters of(List<String> problems) {
        List<Setting> settings = new ArrayList<>();
        Set<String> libraries = new TreeSet<>();
        Set<String> bodyThreads = new LinkedHashSet<>();
        for (Adapter adapter :
                Services.of(ServiceLoader.load(Adapter.class, Adapter.class.getClassLoader()), problems::add)) {
            Optional<String> version = OtherVersions.ofAdapter(adapter.getClass());
            if (version.isPresent()) problems.add(version.get());
            try {
                settings.addAll(SafeCopies.list(adapter.settings()));
                libraries.addAll(SafeCopies.list(adapter.libraries()));
                bodyThreads.addAll(SafeCopies.list(adapter.bodyThreads()));
            } catch (RuntimeException | Error broken) {
                problems.add("asking the adapter " + adapter.getClass().getName() + ": " + ShownValue.of(broken));
            }
        }
        return new InstalledAdapters(List.copyOf(settings), List.copyOf(libraries), List.copyOf(bodyThreads));
    }
}
