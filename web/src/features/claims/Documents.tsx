/** The documents of a certificate: opened by everybody, attached and taken away by managers. */
import { useMutation, useQuery, useQueryClient, type UseQueryResult } from "@tanstack/react-query";
import { FileText, X } from "lucide-react";
import type { ReactElement } from "react";

import { api, data, every } from "../../api/client";
import { useMe } from "../../api/hooks";
import type { components } from "../../api/schema.generated";
import { upload } from "../../api/upload";
import { newId } from "../../app/names";
import { dayShort } from "../../app/when";
import { FileKey } from "../../ui/FileKey";
import { Trouble } from "../../ui/Trouble";
import { small } from "../pictures/small";
import { say } from "../../app/language";

type Line = components["schemas"]["CertificateLine"];
const KEY = ["certificates"];

export const useDocuments = (): UseQueryResult<Line[]> =>
  useQuery({
    queryKey: KEY,
    staleTime: 60_000,
    queryFn: () => every((page) => api.GET("/api/certificates", { params: { query: page } })),
  });

function Attach({ item, certificate }: { item: string; certificate: string }): ReactElement {
  const client = useQueryClient();
  const attach = useMutation({
    mutationFn: async (file: File) => {
      const made = file.type.startsWith("image/") ? await small(file) : file;
      const of = new URLSearchParams({ item, certificate }).toString();
      const type = made.type || "application/pdf";
      return upload<Line>(`/api/certificates/${newId()}?${of}`, made, type, "PUT");
    },
    onSuccess: () => client.invalidateQueries({ queryKey: KEY }),
  });
  return (
    <>
      <FileKey
        label={say("Document of certificate {certificate}", { certificate })}
        accept="application/pdf,image/jpeg,image/png"
        words={say("Attach its document")}
        bare
        busy={attach.isPending}
        onFile={(f) => attach.mutate(f)}
      />
      <Trouble error={attach.error} />
    </>
  );
}

function One({ line, manager }: { line: Line; manager: boolean }): ReactElement {
  const client = useQueryClient();
  const away = useMutation({
    mutationFn: () =>
      data(api.DELETE("/api/certificates/{file_id}", { params: { path: { file_id: line.id } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: KEY }),
  });
  return (
    <span className="flex items-center gap-1">
      <a className="key bare" href={`/api/certificates/${line.id}`} download>
        <FileText size={20} aria-hidden="true" />
        {say("Certificate, attached")} {dayShort(line.at)}
      </a>
      {manager && (
        <button
          className="grid place-items-center w-11 h-11"
          aria-label={say("Take away the document of certificate {certificate}", {
            certificate: line.certificate,
          })}
          disabled={away.isPending}
          onClick={() => {
            if (window.confirm(say("Take this document away for good?"))) away.mutate();
          }}
        >
          <X size={18} aria-hidden="true" />
        </button>
      )}
      <Trouble error={away.error} />
    </span>
  );
}

export function Documents({
  item,
  certificate,
  lines,
}: {
  item: string;
  certificate: string;
  lines: Line[];
}): ReactElement {
  const manager = useMe().data?.role === "manager";
  const own = lines.filter((l) => l.item === item && l.certificate === certificate);
  return (
    <span className="flex gap-2 flex-wrap items-center pt-1">
      {own.map((line) => (
        <One key={line.id} line={line} manager={manager} />
      ))}
      {own.length === 0 && manager && <Attach item={item} certificate={certificate} />}
    </span>
  );
}
