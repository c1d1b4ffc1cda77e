/** What this computer keeps for its owner, apart from boards: trust, secrets, certificates, settings; and boards as they are read. */
@NullMarked
package rombix.running.owner;

import org.jspecify.annotations.NullMarked;
