// One chunk of its own, loaded by the first page with a form; everything else takes the form library from `form-library.ts`.
export { yupResolver } from "@hookform/resolvers/yup";
export { useController, useForm, useFormState, useWatch } from "react-hook-form";
