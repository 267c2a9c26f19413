export const COMFORT_KEY = 'zesty-comfort';
export const DARK_WANTED = '(prefers-color-scheme: dark)';
/** Size of the root's letters at 100 %, pixels. */
const ROOT_SIZE = 16;

export const rootSize = (text: number) => `${(ROOT_SIZE * text) / 100}px`;

/** Runs before anything is painted: the theme and the size of text stand from the first frame. */
export const BOOT_SCRIPT = `try{var c=JSON.parse(localStorage.getItem('${COMFORT_KEY}')||'{}'),r=document.documentElement;r.dataset.theme=c.theme==='dim'||c.theme!=='light'&&matchMedia('${DARK_WANTED}').matches?'dim':'light';if(c.text>100)r.style.fontSize=${ROOT_SIZE}*c.text/100+'px'}catch(e){}`;
