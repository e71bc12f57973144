package dev.verbale.engine.settings;

import dev.verbale.spi.Setting;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;

/** What settings are set to. A value that a setting does not allow is a problem once, and its fallback holds. */
public final class SettingValues {

    private final Map<String, String> values;
    private final Consumer<String> problems;
    private final Set<String> refused = ConcurrentHashMap.newKeySet();

    /** @param values by the settings' keys; what is not set is not there */
    public SettingValues(Map<String, String> values, Consumer<String> problems) {
        this.values = values;
        this.problems = problems;
    }

    public String of(Setting setting) {
        String value = values.get(setting.key());
        if (value == null || value.isEmpty()) return setting.fallback();
        if (setting.allows(value)) return value;
        if (refused.add(setting.key()))
            problems.accept(setting.key() + ": '" + value + "' is not " + setting.allowedText() + ". Using "
                    + setting.fallback() + ".");
        return setting.fallback();
    }
}
