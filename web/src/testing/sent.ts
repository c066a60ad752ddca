/** A request that goes out when the test lets it. */
export class Sent {
  static all: Sent[] = [];
  status = 0;
  responseText = "";
  form: FormData | null = null;
  aborted = false;
  upload: { onprogress?: (e: { lengthComputable: boolean; loaded: number; total: number }) => void } = {};
  onload?: () => void;
  onerror?: () => void;
  onabort?: () => void;
  open() {}
  setRequestHeader() {}
  send(form: FormData) {
    this.form = form;
    Sent.all.push(this);
  }
  abort() {
    this.aborted = true;
    this.onabort?.();
  }
  answer(status: number, body: unknown) {
    this.status = status;
    this.responseText = JSON.stringify(body);
    this.onload?.();
  }
}
