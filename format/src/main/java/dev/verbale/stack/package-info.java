/** The calling thread's stack. */
@API(status = Status.INTERNAL)
@NullMarked
package dev.verbale.stack;

import org.apiguardian.api.API;
import org.apiguardian.api.API.Status;
import org.jspecify.annotations.NullMarked;
