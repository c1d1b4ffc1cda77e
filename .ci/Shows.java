import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Frame;
import java.awt.Graphics;
import java.awt.Graphics2D;
import java.awt.event.MouseAdapter;
import java.awt.event.MouseEvent;
import java.awt.image.BufferedImage;
import java.io.BufferedReader;
import java.io.ByteArrayOutputStream;
import java.io.InputStreamReader;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import javax.imageio.ImageIO;

/**
 * A window that shows a picture at places, and says where it is clicked. Without arguments it writes that picture as PNG in
 * Base64. A line for each look: x, y and scale of each place, {@code cover x y width height} behind them; an empty line
 * shows nothing.
 */
final class Shows extends Frame {
    private static final int WIDTH = 60;
    private static final int HEIGHT = 40;
    private volatile String look = "";

    public static void main(String[] args) throws Exception {
        if (args.length == 0) {
            BufferedImage image = new BufferedImage(WIDTH, HEIGHT, BufferedImage.TYPE_INT_RGB);
            draw(image.createGraphics());
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ImageIO.write(image, "png", out);
            System.out.println(Base64.getEncoder().encodeToString(out.toByteArray()));
            return;
        }
        Shows shows = new Shows();
        BufferedReader in = new BufferedReader(new InputStreamReader(System.in));
        for (String line = in.readLine(); line != null; line = in.readLine()) {
            shows.look = line;
            shows.repaint();
        }
        System.exit(0);
    }

    private Shows() {
        super("shows");
        setUndecorated(true);
        setBackground(new Color(0x2A3540));
        setBounds(300, 120, 640, 480);
        addMouseListener(new MouseAdapter() {
            @Override
            public void mousePressed(MouseEvent e) {
                System.out.println("click " + e.getX() + " " + e.getY());
            }
        });
        setVisible(true);
    }

    @Override
    public void update(Graphics g) {
        BufferedImage whole = new BufferedImage(getWidth(), getHeight(), BufferedImage.TYPE_INT_RGB);
        Graphics2D to = whole.createGraphics();
        to.setColor(getBackground());
        to.fillRect(0, 0, getWidth(), getHeight());
        List<String> words = new ArrayList<>(List.of(look.strip().split(" +")));
        while (words.size() >= 3 && !words.getFirst().equals("cover")) {
            Graphics2D part = (Graphics2D) to.create();
            part.translate(Integer.parseInt(words.removeFirst()), Integer.parseInt(words.removeFirst()));
            double scale = Double.parseDouble(words.removeFirst());
            part.scale(scale, scale);
            draw(part);
        }
        if (!words.isEmpty() && words.getFirst().equals("cover")) {
            int[] n = words.subList(1, 5).stream().mapToInt(Integer::parseInt).toArray();
            to.setColor(Color.GRAY);
            to.fillRect(n[0], n[1], n[2], n[3]);
        }
        g.drawImage(whole, 0, 0, null);
    }

    @Override
    public void paint(Graphics g) {
        update(g);
    }

    private static void draw(Graphics2D g) {
        g.setColor(new Color(0x385070));
        g.fillRect(0, 0, WIDTH, HEIGHT);
        g.setColor(new Color(0xF0C040));
        g.fillPolygon(new int[]{10, 34, 10}, new int[]{6, 20, 34}, 3);
        g.setColor(Color.WHITE);
        g.setStroke(new BasicStroke(3));
        g.drawOval(38, 10, 16, 20);
        g.fillRect(4, 36, 40, 2);
    }
}
