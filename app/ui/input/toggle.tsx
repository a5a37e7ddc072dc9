import { Button, type ButtonProps } from "./button";

type ToggleProps = Omit<ButtonProps, "pressed" | "tone" | "hint"> & { on: boolean };

/** Toggle button: one of several, or on and off. */
export function Toggle({ on, className = "", textClassName = "text-base", ...rest }: ToggleProps) {
  return (
    <Button
      {...rest}
      pressed={on}
      className={`${className} ${on ? "bg-chock" : ""}`}
      textClassName={`${textClassName} ${on ? "text-on-chock" : ""}`}
    />
  );
}
