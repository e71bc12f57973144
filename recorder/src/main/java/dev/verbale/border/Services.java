package dev.verbale.border;

import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.ServiceConfigurationError;
import java.util.ServiceLoader;
import java.util.function.Consumer;

/** Services that others provide. */
public final class Services {

    private Services() {}

    /** All of {@code loader} that can be loaded; one that cannot be is a problem, and the others are still there. */
    public static <T> List<T> of(ServiceLoader<T> loader, Consumer<String> problems) {
        List<T> all = new ArrayList<>();
        Iterator<T> found = loader.iterator();
        while (true) {
            try {
                if (!found.hasNext()) return all;
                all.add(found.next());
            } catch (ServiceConfigurationError | LinkageError absent) {
                problems.accept("loading a service: " + absent);
            }
        }
    }
}
