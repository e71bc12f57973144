/**
 * What runs came to as Parquet files in folders by project and day: {@link dev.verbale.lake.Lake} adds to them, {@link
 * dev.verbale.lake.LakeTables} asks them in SQL. Any other engine reads the same files. Both need DuckDB's driver ({@code
 * org.duckdb:duckdb_jdbc}) in the class path.
 */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.lake;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
