/** MQTT 3.1.1 and 5. */
@NullMarked
package rombix.links.mqtt;

import org.jspecify.annotations.NullMarked;
