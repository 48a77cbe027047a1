/** Every kind of element that HTML has for text, lists, tables, choices and forms, in the states that markup can say. */
export const KINDS = `
<section class="uv-specimen-kinds">
<h1>Heading of the first level</h1>
<h2>Heading of the second level</h2>
<h3>Heading of the third level</h3>
<h4>Heading of the fourth level</h4>
<h5>Heading of the fifth level</h5>
<h6>Heading of the sixth level</h6>
<p>A paragraph of running text with <a href="#somewhere">a link</a>, <strong>strong</strong> and <em>stressed</em> words, <mark>marked</mark> ones,
<code>code</code>, <kbd>keys</kbd>, <samp>output</samp>, an <abbr title="abbreviation">abbr.</abbr>, <del>taken out</del>, <ins>put in</ins>,
<s>no longer so</s>, <small>small print</small>, <sub>low</sub> and <sup>high</sup>.</p>
<blockquote><p>A quotation of somebody else.</p><footer>Its source</footer></blockquote>
<pre><code>a block of code</code></pre>
<hr>
<ul><li>One</li><li>Two<ul><li>Inside</li></ul></li></ul>
<ol><li>First</li><li>Second</li></ol>
<dl><dt>A term</dt><dd>What it means</dd></dl>
<table><caption>Days and prices</caption><thead><tr><th scope="col">Day</th><th scope="col">Price</th></tr></thead>
<tbody><tr><th scope="row">Saturday</th><td>39</td></tr><tr><th scope="row">Sunday</th><td>42</td></tr></tbody>
<tfoot><tr><th scope="row">Together</th><td>81</td></tr></tfoot></table>
<figure><svg width="40" height="24" viewBox="0 0 40 24" aria-hidden="true"><path fill="currentColor" d="M0 20h40v4H0z"/></svg><figcaption>What is seen</figcaption></figure>
<details><summary>More of it, closed</summary><p>Hidden</p></details>
<details open><summary>More of it, open</summary><p>Shown</p></details>
<nav aria-label="Pages"><a href="#1">1</a> <a href="#2" aria-current="page">2</a> <a href="#3">3</a></nav>
<p><progress value="40" max="100">40</progress> <meter value="0.6">0.6</meter></p>
<form>
<fieldset><legend>Fields</legend>
<p><label>Name <input type="text" placeholder="First and last"></label></p>
<p><label>Filled in <input type="text" value="Nell Pargeter"></label></p>
<p><label>Refused <input type="email" value="no address" required aria-invalid="true"></label></p>
<p><label>Read only <input type="text" value="Saturday" readonly></label></p>
<p><label>Off <input type="text" value="Not now" disabled></label></p>
<p><label>Search <input type="search" placeholder="Trips"></label> <label>Number <input type="number" value="2"></label> <label>Day <input type="date"></label></p>
<p><label>How far <input type="range" value="40"></label> <label>Colour <input type="color" value="#808080"></label> <label>File <input type="file"></label></p>
<p><label>Choice <select><option>One</option><option selected>Two</option></select></label> <label>Off <select disabled><option>One</option></select></label></p>
<p><label>Words <textarea placeholder="What we should know"></textarea></label></p>
<p><label><input type="checkbox"> Open</label> <label><input type="checkbox" checked> Ticked</label> <label><input type="checkbox" disabled> Off</label></p>
<p><label><input type="radio" name="uv-r"> One</label> <label><input type="radio" name="uv-r" checked> Other</label> <label><input type="radio" name="uv-r" disabled> Off</label></p>
</fieldset>
<p><button type="submit">Send</button> <button type="button">Do</button> <button type="reset">Take back</button> <button type="button" disabled>Off</button>
<input type="submit" value="Send"> <input type="button" value="Do"></p>
</form>
<div class="uv-specimen-copy uv-specimen-tall"><dialog open><h2>A dialog</h2><p>What it asks, with <a href="#there">a link</a>.</p><p><button type="button">Yes</button> <button type="button">No</button></p></dialog></div>
</section>
`;
