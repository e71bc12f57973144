package dev.verbale.engine.exchange;

import dev.verbale.engine.attachment.Attachments;
import dev.verbale.engine.check.CheckRecorder;
import dev.verbale.engine.guard.Guard;
import dev.verbale.engine.guard.Task;
import dev.verbale.engine.journal.RunJournal;
import dev.verbale.engine.parts.Parts;
import dev.verbale.engine.scope.ScopeNode;
import dev.verbale.engine.scope.Scopes;
import dev.verbale.engine.text.Texts;
import dev.verbale.spi.AdapterExchange;
import org.jspecify.annotations.Nullable;

/** Begins exchanges. */
public final class ExchangeRecorder {

    final Guard guard;
    final RunJournal journal;
    final Scopes scopes;
    final Texts texts;
    final CheckRecorder checks;
    final ExchangeSettings settings;
    private final Attachments attachments;
    private final int longestText;

    /** @param longestText of a body that stands in the journal, in characters */
    public ExchangeRecorder(
            Parts parts, CheckRecorder checks, Attachments attachments, ExchangeSettings settings, int longestText) {
        this.guard = parts.guard();
        this.journal = parts.journal();
        this.scopes = parts.scopes();
        this.texts = parts.texts();
        this.checks = checks;
        this.attachments = attachments;
        this.settings = settings;
        this.longestText = longestText;
    }

    /** An exchange of this thread, which ends with its test, its container or the run at the latest. */
    public AdapterExchange begin(@Nullable String method, @Nullable String url) {
        AdapterExchange exchange = guard.get(Task.EXCHANGE, AdapterExchange.NONE, context -> {
            ScopeNode scope = scopes.current(context);
            return new OpenExchange(this, scope, scopes.orphanThread(context.current, scope), method, url);
        });
        if (exchange instanceof OpenExchange begun) begun.begins();
        return exchange;
    }

    /** An exchange of {@code scope}, which may be answered after that has ended. */
    public AdapterExchange begin(ScopeNode scope, @Nullable String method, @Nullable String url) {
        return guard.get(Task.EXCHANGE, AdapterExchange.NONE, context -> {
            String thread = scope.state.isTest ? null : Thread.currentThread().getName();
            return new OpenExchange(this, scope, thread, method, url);
        });
    }

    Bodies bodies(ScopeNode scope) {
        return new Bodies(attachments, texts, scope, settings.maxBytes(), longestText);
    }
}
