package dev.verbale.spring;

import dev.verbale.hostile.AdapterCallsContract;

class HostileCallsTest extends AdapterCallsContract {}
