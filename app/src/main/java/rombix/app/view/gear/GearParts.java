package rombix.app.view.gear;

import java.util.function.Function;
import rombix.core.traffic.WhyNot;
import rombix.running.owner.Secrets;

/**
 * What the sheet of gear is made with.
 *
 * @param practice where stand-ins can be had for gear that is not here yet
 * @param secrets the passwords that boards refer to
 * @param discovery where gear was found
 * @param test tests the connection to a gear, by its id; takes some seconds, never called on the interface thread
 */
public record GearParts(Practice practice, Secrets secrets, Discovery discovery, Function<String, WhyNot> test) {
}
