/**
 * Messages about a run: mails by SMTP, and JSON by HTTP to chats, trackers and whatever else takes it.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.messages;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
