/** MQTT 3.1.1. */
@NullMarked
package rombix.links.mqtt;

import org.jspecify.annotations.NullMarked;
