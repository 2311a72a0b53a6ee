/**
 * A form of several fields: checked as it is filled in by the class that the act takes it with, each message beside its field; sent to the
 * page's action, cleared when stored, with the refusal beneath when not.
 */
import { classValidatorResolver } from "@hookform/resolvers/class-validator";
import { useEffect, useId } from "react";
import {
  Controller,
  FormProvider,
  useForm,
  useFormContext,
  type DefaultValues,
  type FieldValues,
  type Resolver,
} from "react-hook-form";
import { useFetcher } from "react-router";
import type { Outcome } from "../../core/records/outcome";
import { Pick, type Option } from "./pick";

export function AskForm<F extends FieldValues>({
  form,
  start,
  intent,
  action,
  extra,
  className = "flex flex-wrap items-start gap-3",
  children,
  keeps = false,
}: {
  form: new () => F;
  /** what stands in the fields at first, and again once it is stored */
  start: DefaultValues<F>;
  intent: string;
  action?: string;
  /** sent along, shown nowhere */
  extra?: Partial<F> & Record<string, string>;
  className?: string;
  children: React.ReactNode;
  /** what was sent stays in the fields */
  keeps?: boolean;
}) {
  const fetcher = useFetcher<Outcome>();
  const f = useForm<F>({
    defaultValues: { ...start, ...extra } as DefaultValues<F>,
    // text in and text out: what it means is read by the act
    resolver: classValidatorResolver(form, {}, { raw: true, mode: "sync" }) as unknown as Resolver<F>,
    mode: "onTouched",
  });
  const idle = fetcher.state === "idle";
  const stored = idle && fetcher.data?.done !== undefined;
  useEffect(() => {
    if (stored && !keeps) f.reset({ ...start, ...extra } as DefaultValues<F>);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each storing
  }, [stored, fetcher.data]);
  const send = f.handleSubmit(
    (values) =>
      void fetcher.submit({ intent, ...(values as Record<string, string>), ...extra }, { method: "post", action }),
  );
  return (
    <FormProvider {...f}>
      <form
        method="post"
        noValidate
        className={className}
        aria-busy={!idle || undefined}
        onSubmit={(e) => void send(e)}
      >
        {children}
        {idle && fetcher.data?.error && (
          <p role="alert" className="col-span-full basis-full text-wrong">
            {fetcher.data.error}
          </p>
        )}
      </form>
    </FormProvider>
  );
}

/** A field's name above it and what is wrong with it beneath. */
function Asked({
  id,
  name,
  label,
  hint,
  className = "",
  children,
}: {
  id: string;
  name: string;
  label: string;
  hint?: string;
  className?: string;
  children: React.ReactNode;
}) {
  const { formState } = useFormContext();
  const wrong = formState.errors[name]?.message;
  return (
    <div className={`flex flex-col gap-0.5 ${className}`}>
      <label htmlFor={id} className="text-small text-muted">
        {label}
      </label>
      {children}
      {typeof wrong === "string" && (
        <p id={`${id}-e`} role="alert" className="max-w-[22rem] text-small text-wrong">
          {/^[“A-Z]/.test(wrong) ? wrong : `${label} ${wrong}.`}
        </p>
      )}
      {hint && (
        <p id={`${id}-h`} className="tag">
          {hint}
        </p>
      )}
    </div>
  );
}
const describedBy = (id: string, wrong: boolean, hint?: string): string | undefined =>
  [wrong ? `${id}-e` : "", hint ? `${id}-h` : ""].filter(Boolean).join(" ") || undefined;

export function AskText({
  name,
  label,
  hint,
  className,
  ...input
}: {
  name: string;
  label: string;
  hint?: string;
  className?: string;
} & Omit<React.InputHTMLAttributes<HTMLInputElement>, "name" | "className">) {
  const id = useId();
  const { register, formState } = useFormContext();
  const wrong = formState.errors[name] !== undefined;
  return (
    <Asked id={id} name={name} label={label} hint={hint} className={className}>
      <input
        id={id}
        type="text"
        autoComplete="off"
        {...input}
        {...register(name)}
        className={`field-in text-ink ${input.type === "color" ? "h-9 !w-20" : ""}`}
        aria-invalid={wrong || undefined}
        aria-describedby={describedBy(id, wrong, hint)}
      />
    </Asked>
  );
}

export function AskPick({
  name,
  label,
  options,
  className,
}: {
  name: string;
  label: string;
  options: readonly Option[];
  className?: string;
}) {
  const id = useId();
  const { control } = useFormContext();
  return (
    <Asked id={id} name={name} label={label} className={className}>
      <Controller
        control={control}
        name={name}
        render={({ field, fieldState }) => (
          <Pick
            id={id}
            value={String(field.value ?? "")}
            options={options}
            onChange={field.onChange}
            invalid={fieldState.invalid}
            describedBy={describedBy(id, fieldState.invalid)}
            className="min-w-[9rem]"
          />
        )}
      />
    </Asked>
  );
}
/** The one button of a form, level with its fields. */
export const AskButton = ({ children }: { children: React.ReactNode }) => (
  <button className="btn mt-[1.45rem]">{children}</button>
);
