package dev.verbale.engine.parts;

import dev.verbale.engine.guard.Guard;
import dev.verbale.engine.journal.RunJournal;
import dev.verbale.engine.scope.Scopes;
import dev.verbale.engine.text.Texts;

/** What everything is made of that records one kind of event: the border, where lines go, which scope is current, texts. */
public record Parts(Guard guard, RunJournal journal, Scopes scopes, Texts texts) {}
