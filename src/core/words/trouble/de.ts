import { voucherDe } from '../voucher/de';
import type { TroubleCode } from './en';

export const troubleDe: Readonly<Record<TroubleCode, string>> = {
  'not-found': 'Das gibt es hier nicht mehr. Fragen Sie den Absender.',
  'accept-first': 'Nehmen Sie zuerst die Geschäftsbedingungen an; es wurde nichts belastet.',
  'approve-first':
    'Eine Datei wartet auf Ihre Freigabe. Sehen Sie sie an und geben Sie sie frei, bevor Sie zahlen; es wurde nichts belastet.',
  'already-paid': 'Diese Rechnung ist schon bezahlt. Es wurde nichts belastet.',
  'amount-changed':
    'Der offene Betrag hat sich geändert. Sehen Sie ihn noch einmal an, bevor Sie zahlen; es wurde nichts belastet.',
  'asked-too-often': 'Mehrere Fragen sind schon unterwegs. Warten Sie eine Weile, oder antworten Sie auf die E-Mail.',
  'authorise-first': 'Ohne Ihre Ermächtigung wird keine Karte hinterlegt. Stimmen Sie bitte zuerst zu.',
  'card-not-kept':
    'Der Kartendienst konnte diese Karte nicht hinterlegen. Es wurde nichts belastet: Geben Sie sie noch einmal ein, oder nehmen Sie eine andere.',
  'charge-settled':
    'Diese Zahlung ist schon erledigt oder gerade unterwegs. Sehen Sie in einem Augenblick noch einmal nach.',
  'file-not-taken':
    'Diese Art Datei wird nicht angenommen. PDF, PNG, JPEG, GIF, WebP, TIFF, DOCX, XLSX und CSV gehen; speichern Sie sie als eine davon.',
  'file-too-large': 'Diese Datei ist größer als 10 MB. Verkleinern Sie sie und wählen Sie sie noch einmal.',
  'invoice-not-payable': 'Diese Rechnung kann hier nicht mehr bezahlt werden. Fragen Sie den Absender.',
  'invoice-not-sent': 'Diese Rechnung ist noch nicht verschickt.',
  'link-over': 'Dieser Link ist abgelaufen. Fordern Sie oben auf der Seite einen neuen an.',
  'no-card': 'Es ist keine Karte hinterlegt, die belastet werden könnte. Hinterlegen Sie zuerst eine.',
  'not-a-robot':
    'Ihr Browser konnte nicht zeigen, dass hier ein Mensch am Werk ist. Laden Sie die Seite neu und versuchen Sie es noch einmal; es wurde nichts belastet.',
  'offer-not-open': 'Das kann nicht mehr bezahlt werden. Es wurde nichts belastet.',
  'order-not-ready': 'Etwas muss zuerst noch angesehen werden. Es wurde nichts belastet.',
  'payment-too-large': 'Das ist mehr, als noch offen ist. Sehen Sie den Betrag noch einmal an.',
  'payment-under-way':
    'Eine Zahlung dieser Rechnung wird gerade geprüft. Warten Sie ab, wie sie ausgeht, bevor Sie es noch einmal versuchen.',
  'plan-ended': 'Dieser Abrechnungsplan ist beendet oder zurückgezogen. Fragen Sie den Absender.',
  'plan-not-ready': 'Etwas an dem Abrechnungsplan muss zuerst noch angesehen werden.',
  'processor-silent': 'Der Kartendienst antwortet gerade nicht. Versuchen Sie es nach einer Weile noch einmal.',
  'request-ended': 'Diese Anfrage wurde zurückgezogen oder ist schon bezahlt. Es wurde nichts belastet.',
  'voucher-blocked': voucherDe.problems['voucher-blocked'],
  'voucher-currency': voucherDe.problems['voucher-currency'],
  'voucher-over': voucherDe.problems['voucher-over'],
  'voucher-unknown': voucherDe.problems['voucher-unknown'],
  'voucher-used-up': voucherDe.problems['voucher-used-up'],
  'too-many-attempts':
    'Es wurden zu viele Karten versucht. Es wurde nichts belastet: Warten Sie eine Weile, dann versuchen Sie es noch einmal.',
  unreachable: 'Keine Verbindung. Was Sie eingegeben haben, bleibt stehen; versuchen Sie es gleich noch einmal.',
  trouble:
    'Hier ging etwas schief, nicht bei Ihnen. Was Sie eingegeben haben, bleibt stehen; versuchen Sie es gleich noch einmal.',
  malformed: 'Etwas Eingegebenes lässt sich nicht lesen. Sehen Sie es noch einmal an.',
};
