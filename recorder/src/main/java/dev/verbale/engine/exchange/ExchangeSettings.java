package dev.verbale.engine.exchange;

import dev.verbale.engine.settings.CoreSettings;
import dev.verbale.engine.settings.SettingValues;

/**
 * What the settings say of exchanges.
 *
 * @param maxBytes the most bytes of each body that are kept
 */
public record ExchangeSettings(int maxBytes, TraceContext traces) {

    public static ExchangeSettings of(SettingValues values) {
        return new ExchangeSettings(
                Integer.parseInt(values.of(CoreSettings.EXCHANGE_BYTES)),
                new TraceContext(
                        values.of(CoreSettings.TRACE_SEND).equals("true"), values.of(CoreSettings.TRACE_ADDRESS)));
    }
}
