package rombix.bench.window;

import javafx.application.Application;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.layout.StackPane;
import javafx.stage.Stage;

/** A program that shows a window with nothing in it: what any window costs. */
final class EmptyWindow {
    private EmptyWindow() {
    }

    public static void main(String[] args) {
        Application.launch(Shown.class);
    }

    /** Made by the toolkit. */
    public static final class Shown extends Application {
        @Override
        public void start(Stage stage) {
            stage.setTitle("empty");
            stage.setScene(new Scene(new StackPane(new Label("empty")), 1280, 800));
            stage.show();
        }
    }
}
